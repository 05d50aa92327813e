/** The engineering hatches: each layer is told by its pattern, not by colour alone. */
export function LayerPatterns({ id, faceColour }: { readonly id: string; readonly faceColour: string }) {
  const tile = { patternUnits: 'userSpaceOnUse' } as const;
  return (
    <defs>
      <pattern id={`${id}laminate`} {...tile} width="10" height="10" patternTransform="rotate(60)">
        <rect width="10" height="10" fill="#eaf2f3" />
        <line y2="10" stroke="#a9c3c9" strokeWidth="1.6" />
      </pattern>
      <pattern id={`${id}face`} {...tile} width="40" height="40">
        <rect width="40" height="40" fill={faceColour} />
      </pattern>
      <pattern id={`${id}adhesive`} {...tile} width="7" height="7">
        <rect width="7" height="7" fill="#efe6cc" />
        <circle cx="2" cy="2" r="1.1" fill="#8a7440" />
        <circle cx="5.5" cy="5.5" r="1.1" fill="#8a7440" />
      </pattern>
      <pattern id={`${id}liner`} {...tile} width="11" height="11" patternTransform="rotate(45)">
        <rect width="11" height="11" fill="#fbfaf6" />
        <line y2="11" stroke="#b3ab98" strokeWidth="1.6" />
      </pattern>
      <pattern id={`${id}body`} {...tile} width="26" height="12">
        <rect width="26" height="12" fill={faceColour} />
        <path d="M1 4q5-3 10 0M14 10q5-3 10 0" fill="none" stroke="#1e2a32" strokeOpacity="0.35" />
      </pattern>
      <pattern id={`${id}mat`} {...tile} width="12" height="12">
        <rect width="12" height="12" fill="#e3e7e6" />
        <path d="M0 0H12M0 0V12" stroke="#aeb8b7" />
      </pattern>
      <linearGradient id={`${id}band`} x2="0" y2="1">
        <stop offset="0" stopColor="var(--color-verdigris)" stopOpacity="0.05" />
        <stop offset="0.5" stopColor="var(--color-verdigris)" stopOpacity="0.55" />
        <stop offset="1" stopColor="var(--color-verdigris)" stopOpacity="0.05" />
      </linearGradient>
    </defs>
  );
}
