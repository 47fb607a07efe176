import { GRAPH, type SmallGraphShape } from '~/core/progress/graph/small-graph-shape';

/** A goal's points, aim line, phases and target zone in a row. Needs no script. */
export function SmallGraph({ shape: { line, dots, aimLine, phaseLines, band, caption } }: { shape: SmallGraphShape }) {
  const { width, height } = GRAPH;
  return (
    <svg
      role="img"
      aria-label={caption}
      viewBox={`0 0 ${width} ${height}`}
      className="block h-auto w-full max-w-59 text-ink"
    >
      <rect x="0" y={band.y} width={width} height={band.height} className="fill-fern-wash" />
      <path d={`M0 ${band.edge}H${width}`} className="stroke-fern" strokeWidth="1" />
      {phaseLines.map((at) => (
        <path key={at} d={`M${at} 0V${height}`} className="stroke-clay" strokeWidth="1.2" strokeDasharray="3 3" />
      ))}
      <path d={aimLine} className="stroke-ink-3" strokeWidth="1.4" strokeDasharray="1.5 3" fill="none" />
      <path d={line} stroke="currentColor" strokeWidth="1.5" strokeLinejoin="round" fill="none" />
      <path d={dots} stroke="currentColor" strokeWidth="4.6" strokeLinecap="round" fill="none" />
    </svg>
  );
}
