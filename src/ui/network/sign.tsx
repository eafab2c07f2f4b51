import type { PartKind } from '@/core/network/catalogue';

/** The sign of a part, drawn around the origin. A closed valve is filled, an open one is not; words stand beside both. */
export function Sign({ kind, closed, reached }: { kind: PartKind; closed: boolean; reached: boolean }) {
  const ink = 'var(--ink)';
  const fill = reached ? 'var(--panel)' : 'var(--ground)';
  const line = { fill, stroke: ink, strokeWidth: 1.5 } as const;
  switch (kind) {
    case 'valve':
      return <path d="M-11,-9 L11,9 L11,-9 L-11,9 Z" {...line} fill={closed ? ink : fill} />;
    case 'meter':
      return <rect x={-15} y={-12} width={30} height={24} {...line} />;
    case 'regulator':
      return <path d="M-13,10 L0,-12 L13,10 Z" {...line} />;
    case 'appliance':
      return <rect x={-20} y={-14} width={40} height={28} {...line} strokeWidth={2.5} />;
    case 'point':
      return (
        <rect x={-7} y={-7} width={14} height={14} transform="rotate(45)" fill="var(--lake)" stroke={ink} />
      );
    case 'cap':
      return <path d="M-3,-11 L3,-11 L3,11 L-3,11 Z" fill={ink} stroke={ink} />;
    case 'source':
      return <path d="M-14,-10 L6,-10 L14,0 L6,10 L-14,10 Z" {...line} />;
    case 'tank':
      return <path d="M-14,-12 Q0,-18 14,-12 V12 Q0,18 -14,12 Z" {...line} />;
    case 'tee':
      return <rect x={-3} y={-3} width={6} height={6} fill={ink} />;
    case 'joint':
      return <path d="M-5,-9 V9 M5,-9 V9 M-9,0 H9" fill="none" stroke={ink} strokeWidth={2} />;
    case 'fitting':
      return <path d="M-12,-8 L-4,-4 H4 L12,-8 V8 L4,4 H-4 L-12,8 Z" {...line} />;
    case 'tested':
      return (
        <g {...line}>
          <rect x={-15} y={-11} width={30} height={22} />
          <rect x={-10} y={-6} width={20} height={12} />
        </g>
      );
    case 'tap':
      return (
        <path
          d="M-12,-3 H4 Q10,-3 10,3 V10 M-2,-3 V-11 M-8,-11 H4"
          fill="none"
          stroke={ink}
          strokeWidth={2}
        />
      );
    case 'vent':
      return <path d="M0,11 V-2 M-7,-2 H7 L0,-12 Z" {...line} />;
    case 'pump':
      return <path d="M-12,11 V-3 H12 V11 Z M0,-3 V-11 M-8,-11 H8" {...line} strokeWidth={2} />;
    case 'loop':
      return <path d="M-14,-10 H10 V-3 H-10 V4 H10 V11 H-14" fill="none" stroke={ink} strokeWidth={2} />;
    case 'outlet':
      return <path d="M-11,-8 H11 V8 H-11 Z M-4,-8 V8 M4,-8 V8" {...line} strokeWidth={2} />;
    case 'connection':
      return <path d="M-13,-9 H3 V9 H-13 Z M3,-12 V12 M3,0 H13" {...line} strokeWidth={2} />;
    case 'equipment':
      return <path d="M-18,-13 H18 V13 H-18 Z M-18,13 L18,-13" {...line} />;
    case 'condensing':
      return (
        <g {...line} strokeWidth={2}>
          <rect x={-20} y={-12} width={40} height={24} />
          <path d="M-14,-7 H8 V-1 H-8 V5 H8" fill="none" />
        </g>
      );
    case 'evaporator':
      return (
        <g {...line}>
          <rect x={-18} y={-13} width={36} height={26} />
          <path d="M-12,-7 H12 V0 H-12 V7 H12" fill="none" strokeWidth={2} />
        </g>
      );
    case 'receiver':
      return <path d="M-9,-10 Q0,-16 9,-10 V10 Q0,16 -9,10 Z" {...line} strokeWidth={2} />;
    case 'expansion':
      return (
        <g {...line}>
          <path d="M-11,-8 L11,8 L11,-8 L-11,8 Z" fill={closed ? ink : fill} />
          <path d="M0,0 V-12 M-5,-12 H5" strokeWidth={2} />
        </g>
      );
    case 'handler':
      return (
        <g {...line} strokeWidth={2}>
          <rect x={-20} y={-15} width={40} height={30} />
          <path d="M0,0 Q8,-12 11,-2 Q2,2 0,0 M0,0 Q-8,12 -11,2 Q-2,-2 0,0" fill="none" />
        </g>
      );
    case 'register':
      return <path d="M-13,-8 H13 V8 H-13 Z M-13,-3 H13 M-13,3 H13" {...line} />;
    case 'intake':
      return <path d="M-10,-10 L10,-4 V4 L-10,10 Z M-10,-10 V10" {...line} strokeWidth={2} />;
    case 'opening':
      return <path d="M-10,-11 V10 H10 V-11 M-10,-4 H10" fill="none" stroke={ink} strokeWidth={2} />;
  }
}
