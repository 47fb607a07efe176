import type { Config } from '@react-router/dev/config';

export default {
  appDirectory: 'web',
  ssr: true,
  future: { v8_middleware: true, v8_passThroughRequests: true },
} satisfies Config;
