import type { Config } from '@react-router/dev/config';

export default {
  appDirectory: 'web',
  ssr: true,
  // A browser learns all addresses once, from a file it keeps: no page works out which of them its links lead to.
  routeDiscovery: { mode: 'initial' },
  future: { v8_middleware: true, v8_passThroughRequests: true },
} satisfies Config;
