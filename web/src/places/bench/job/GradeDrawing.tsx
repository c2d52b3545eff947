import type { Schemas } from '../../../api/client';

const FINS = [6, 13, 20, 27, 34, 41];

/** A small drawing of a grade, so that two people give the same one. */
export function GradeDrawing({ about, grade }: { about: Schemas['FindingSubject']; grade: string }) {
  return (
    <svg width={48} height={32} viewBox="0 0 48 32" aria-hidden="true">
      {draw(about, grade)}
    </svg>
  );
}

function draw(about: Schemas['FindingSubject'], grade: string) {
  switch (about) {
    case 'dust':
      return (
        <>
          {FINS.map((x) => (
            <path key={x} d={`M${String(x)} 3V29`} stroke="var(--ink)" strokeWidth={1.6} />
          ))}
          {Number(grade) > 0 && (
            <rect
              x={3}
              y={29 - Number(grade) * 6.5}
              width={42}
              height={Number(grade) * 6.5}
              fill="var(--stone)"
              opacity={0.35 + Number(grade) * 0.15}
            />
          )}
        </>
      );
    case 'mesh':
      return (
        <>
          {[6, 15, 24, 33, 42].flatMap((x) =>
            [6, 16, 26].map((y) => (
              <circle
                key={`${String(x)} ${String(y)}`}
                cx={x}
                cy={y}
                r={3.6}
                fill={(x * 7 + y * 3) % 20 < Number(grade) * 5 ? 'var(--stone)' : 'none'}
                stroke="var(--ink)"
              />
            )),
          )}
        </>
      );
    case 'fan-spin':
    case 'fan-noise':
      return (
        <>
          <circle cx={24} cy={16} r={13} fill="none" stroke="var(--ink)" />
          {[0, 120, 240].map((a) => (
            <path
              key={a}
              d="M24 16C28 10 30 8 27 4C22 6 22 12 24 16Z"
              fill="var(--ink)"
              transform={`rotate(${String(a)} 24 16)`}
            />
          ))}
          {(grade === 'stuck' || grade === 'stiff') && (
            <path d="M10 28L38 4" stroke="var(--ink)" strokeWidth={grade === 'stuck' ? 3 : 1} />
          )}
          {grade === 'hums' && <path d="M41 11Q44 16 41 21" fill="none" stroke="var(--ink)" />}
          {grade === 'rattles' && (
            <path d="M40 8L44 12L40 16L44 20L40 24" fill="none" stroke="var(--ink)" strokeWidth={1.5} />
          )}
        </>
      );
    case 'liquid':
      return (
        <path
          d="M24 4C17 13 15 17 15 20A9 8 0 0 0 33 20C33 17 31 13 24 4Z"
          fill={grade === 'wet' ? 'var(--stone)' : 'none'}
          stroke="var(--ink)"
          strokeDasharray={grade === 'dried' ? '3 2' : undefined}
          opacity={grade === 'none' ? 0.25 : 1}
        />
      );
    case 'corrosion':
      return (
        <>
          <rect x={10} y={8} width={28} height={16} fill="none" stroke="var(--ink)" />
          {[14, 20, 26, 32].map((x, i) => (
            <path
              key={x}
              d={grade === 'eaten' && i > 1 ? `M${String(x)} 8V13M${String(x)} 20V24` : `M${String(x)} 8V24`}
              stroke="var(--ink)"
              strokeWidth={2}
              opacity={grade === 'none' ? 0.35 : 1}
            />
          ))}
          {grade === 'film' && <rect x={10} y={8} width={28} height={16} fill="var(--stone)" opacity={0.5} />}
          {(grade === 'green' || grade === 'eaten') && (
            <path d="M13 12h5v4h-5zM22 17h6v4h-6zM30 10h5v5h-5z" fill="var(--stone)" stroke="var(--ink)" />
          )}
        </>
      );
    case 'seal':
      return (
        <>
          <circle
            cx={24}
            cy={16}
            r={11}
            fill="none"
            stroke="var(--ink)"
            opacity={grade === 'none' ? 0.25 : 1}
            strokeWidth={2}
          />
          {grade === 'broken' && (
            <path d="M24 4L20 13L28 18L24 28" fill="none" stroke="var(--ink)" strokeWidth={2} />
          )}
        </>
      );
    case 'paste':
    case 'coverage':
      return (
        <>
          <rect x={9} y={3} width={30} height={26} fill="none" stroke="var(--ink)" />
          {grade === 'spots' ? (
            <path
              d="M9 3H39V29H9ZM16 8A4 4 0 1 0 16.1 8ZM30 17A4 4 0 1 0 30.1 17Z"
              fill="var(--stone)"
              fillRule="evenodd"
            />
          ) : (
            <rect
              x={grade === 'edges' ? 14 : 9}
              y={grade === 'edges' ? 7 : 3}
              width={grade === 'half' ? 14 : grade === 'edges' ? 20 : 30}
              height={grade === 'edges' ? 18 : 26}
              fill="var(--stone)"
              opacity={grade === 'powder' ? 0.3 : 1}
            />
          )}
          {grade === 'stiff' && (
            <path d="M12 10H36M12 16H36M12 22H36" stroke="var(--ink)" strokeWidth={0.8} />
          )}
          {(grade === 'cracked' || grade === 'dry') && (
            <path
              d={
                grade === 'cracked'
                  ? 'M9 12L20 16L16 29M20 16L30 9L39 14M30 9L28 3M26 29L31 20L39 24'
                  : 'M14 3L18 16L13 29M30 3L27 14L33 29'
              }
              fill="none"
              stroke="var(--ink)"
            />
          )}
          {grade === 'powder' &&
            [13, 19, 25, 31].map((x) => (
              <path
                key={x}
                d={`M${String(x)} 6v1m3 5v1m-4 5v1m3 5v1`}
                stroke="var(--ink)"
                strokeWidth={1.6}
              />
            ))}
        </>
      );
    default:
      return (
        <>
          <rect x={6} y={20} width={36} height={7} fill="none" stroke="var(--ink)" />
          {grade === 'torn' ? (
            <path d="M8 9H20L23 19L17 15L8 19ZM27 10L40 9V19H30Z" fill="var(--stone)" stroke="var(--ink)" />
          ) : (
            <rect
              x={8}
              y={grade === 'thick' ? 3 : 9}
              width={32}
              height={grade === 'thick' ? 16 : 10}
              rx={grade === 'elastic' ? 4 : 0}
              fill={grade === 'paste' ? 'none' : 'var(--stone)'}
              stroke="var(--ink)"
              strokeDasharray={grade === 'paste' ? '2 2' : undefined}
            />
          )}
          {grade === 'hard' && <path d="M14 9V19M21 9V19M28 9V19M35 9V19" stroke="var(--ink)" />}
          {grade === 'oily' && (
            <path d="M12 22a2 2 0 1 0 .1 0M24 23a2.5 2.5 0 1 0 .1 0M36 22a2 2 0 1 0 .1 0" fill="var(--ink)" />
          )}
        </>
      );
  }
}
