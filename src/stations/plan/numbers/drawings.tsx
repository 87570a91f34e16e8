import type { Draw } from '@/core/camera/reserve';
import type { SetupNumbers } from '@/core/plan/setup/numbers';
import { sayLength, type Units } from '@/core/units';

const wide = 300;
const tall = 108;

function Drawing({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <svg viewBox={`0 0 ${wide} ${tall}`} className="block h-auto w-full" role="img" aria-label={label}>
      {children}
    </svg>
  );
}
const Words = ({
  x,
  y,
  text,
  anchor = 'middle',
}: {
  x: number;
  y: number;
  text: string;
  anchor?: 'start' | 'middle' | 'end';
}) => (
  <text x={x} y={y} textAnchor={anchor} fontSize="11" fill="var(--ink2)">
    {text}
  </text>
);

/** The tape from the lens: what is sharp, where focus lies, where the marks stand. */
export function DepthDrawing({
  numbers,
  focus,
  reach,
  units,
}: {
  numbers: SetupNumbers;
  focus: number;
  reach: number;
  units: Units;
}) {
  const { sharp, marks } = numbers;
  const most = Math.max(reach, focus * 1.2, ...marks.map(({ depth }) => depth * 1.15));
  const x = (metres: number) => 14 + (Math.min(most, Math.max(0, metres)) / most) * (wide - 28);
  return (
    <Drawing label={`Sharp from ${sayLength(sharp.near, units)} to ${sayLength(sharp.far, units)}`}>
      <rect
        x={x(sharp.near)}
        y="34"
        width={Math.max(2, x(sharp.far) - x(sharp.near))}
        height="36"
        fill="var(--verdigris)"
        opacity="0.3"
      />
      <line x1={x(0)} x2={x(most)} y1="70" y2="70" stroke="var(--ink2)" />
      {Array.from({ length: Math.floor(most) + 1 }, (_, metre) => (
        <line key={metre} x1={x(metre)} x2={x(metre)} y1="70" y2="76" stroke="var(--ink2)" />
      ))}
      <path d={`M${x(0) - 6} 62h8l5 -6v20l-5 -6h-8z`} fill="var(--ink)" />
      <line x1={x(focus)} x2={x(focus)} y1="26" y2="78" stroke="var(--saffron)" strokeWidth="2" />
      <Words x={x(focus)} y={20} text={`focus ${sayLength(focus, units)}`} />
      {marks.map(({ mark, depth }, index) => (
        <g key={mark.id} transform={`translate(0 ${index % 2 ? 9 : -8})`}>
          <circle
            cx={x(depth)}
            cy="52"
            r="7"
            fill={depth >= sharp.near && depth <= sharp.far ? 'var(--verdigris)' : 'var(--madder)'}
          />
          <text x={x(depth)} y="56" textAnchor="middle" fontSize="10" fontWeight="700" fill="var(--raised)">
            {mark.name.slice(0, 1)}
          </text>
        </g>
      ))}
      <Words x={x(sharp.near)} y={92} text={sayLength(sharp.near, units)} />
      {sharp.far < most && <Words x={x(sharp.far)} y={92} text={sayLength(sharp.far, units)} />}
      {sharp.far >= most && (
        <Words x={wide - 10} y={92} anchor="end" text={`→ ${sayLength(sharp.far, units)}`} />
      )}
    </Drawing>
  );
}

/** The lens from above with its angle and what it shows across at the nearest mark. */
export function FieldDrawing({ frame, units }: { frame: SetupNumbers['frame']; units: Units }) {
  const half = (frame.angle / 2) * (Math.PI / 180);
  const reach = Math.min(74, 130 / Math.tan(half));
  const across = reach * Math.tan(half);
  return (
    <Drawing
      label={`${frame.angle.toFixed(1)}° across, ${sayLength(frame.width, units)} at ${sayLength(frame.distance, units)}`}
    >
      <path d={`M150 94L${150 - across} ${94 - reach}H${150 + across}Z`} fill="var(--woad)" opacity="0.2" />
      <path
        d={`M150 94L${150 - across} ${94 - reach}M150 94L${150 + across} ${94 - reach}`}
        stroke="var(--woad)"
        strokeDasharray="4 3"
      />
      <line
        x1={150 - across}
        x2={150 + across}
        y1={94 - reach}
        y2={94 - reach}
        stroke="var(--woad)"
        strokeWidth="2.5"
      />
      <rect x="143" y="92" width="14" height="12" fill="var(--ink)" />
      <Words x={150} y={Math.max(12, 94 - reach - 6)} text={sayLength(frame.width, units)} />
      <Words x={150} y={80} text={`${frame.angle.toFixed(1)}°`} />
    </Drawing>
  );
}

/** One turn of the shutter, and the lamps' pulses that fall into its opening. */
export function ShutterDrawing({ shutter, seconds }: { shutter: SetupNumbers['shutter']; seconds: number }) {
  const angle = Math.min(359.9, shutter.angle);
  const end = ((angle - 90) * Math.PI) / 180;
  const pulses = seconds * shutter.mains * 2;
  const span = Math.max(2.4, pulses * 1.25);
  const x = (at: number) => 112 + (at / span) * 178;
  const wave = Array.from({ length: 120 }, (_, index) => {
    const at = (index / 119) * span;
    return `${index ? 'L' : 'M'}${x(at).toFixed(1)} ${(76 - 22 * (1 - Math.cos(2 * Math.PI * at)) * 0.9).toFixed(1)}`;
  }).join('');
  return (
    <Drawing label={`${shutter.angle.toFixed(0)}° of shutter, ${pulses.toFixed(2)} pulses of light`}>
      <circle cx="52" cy="54" r="38" fill="var(--sunk)" stroke="var(--ink2)" />
      <path
        d={`M52 54V16A38 38 0 ${angle > 180 ? 1 : 0} 1 ${52 + 38 * Math.cos(end)} ${54 + 38 * Math.sin(end)}Z`}
        fill="var(--saffron)"
        opacity="0.75"
      />
      <Words x={52} y={106} text={`${shutter.angle.toFixed(0)}°`} />
      <rect
        x={x(0)}
        y="28"
        width={Math.max(2, x(pulses) - x(0))}
        height="52"
        fill="var(--saffron)"
        opacity="0.28"
      />
      <path d={wave} fill="none" stroke="var(--ink2)" strokeWidth="1.6" />
      <Words x={200} y={98} text={`${pulses.toFixed(2)} pulses at ${shutter.mains} Hz`} />
      <Words x={x(0)} y={20} anchor="start" text="open" />
    </Drawing>
  );
}

/** Pictures filmed above, pictures shown below. */
export function SpeedDrawing({ filmed, shown, speed }: { filmed: number; shown: number; speed: number }) {
  const across = wide - 24;
  const spanFilmed = 1 / 6;
  const frames = Math.max(1, Math.round(filmed * spanFilmed));
  const delivered = Math.max(1, Math.round((shown * spanFilmed) / speed));
  const row = (count: number, y: number, dye: string) =>
    Array.from({ length: count }, (_, index) => (
      <rect
        key={index}
        x={12 + (index / count) * across}
        y={y}
        width={Math.max(0.8, across / count - 1.2)}
        height="24"
        fill={dye}
        opacity="0.75"
      />
    ));
  return (
    <Drawing label={`${filmed.toFixed(2)} filmed a second, shown at ${(speed * 100).toFixed(0)} %`}>
      <Words x={12} y={18} anchor="start" text={`filmed in 1/6 s: ${frames} pictures`} />
      {row(frames, 24, 'var(--woad)')}
      <Words
        x={12}
        y={68}
        anchor="start"
        text={`shown at ${(speed * 100).toFixed(0)} %: wants ${delivered}`}
      />
      {row(delivered, 74, delivered > frames ? 'var(--madder)' : 'var(--verdigris)')}
    </Drawing>
  );
}

/** The capture with the delivery inside it, and what each effect eats of what is left. */
export function ReserveDrawing({
  reserve,
  shape,
}: {
  reserve: SetupNumbers['reserve'] & { draws: Draw[] };
  shape: number;
}) {
  const height = 92;
  const width = Math.min(200, height * shape);
  const full = { width, height: width / shape };
  const used = (scale: number) => ({ width: full.width / scale, height: full.height / scale });
  const boxes = [
    { scale: 1, dye: 'var(--ink2)' },
    { scale: reserve.needed, dye: 'var(--saffron)' },
    { scale: reserve.there, dye: 'var(--verdigris)' },
  ];
  return (
    <Drawing
      label={`Needs ${(reserve.needed * 100).toFixed(0)} %, there is ${(reserve.there * 100).toFixed(0)} %`}
    >
      {boxes.map(({ scale, dye }, index) => {
        const box = used(scale);
        return (
          <rect
            key={index}
            x={6 + (full.width - box.width) / 2}
            y={8 + (full.height - box.height) / 2}
            width={box.width}
            height={box.height}
            fill={index === 1 ? 'var(--saffron)' : 'none'}
            fillOpacity="0.15"
            stroke={dye}
            strokeWidth="2"
            strokeDasharray={index === 2 ? '5 3' : undefined}
          />
        );
      })}
      <Words x={full.width + 16} y={26} anchor="start" text="grey: filmed" />
      <Words x={full.width + 16} y={46} anchor="start" text="saffron: left" />
      <Words x={full.width + 16} y={66} anchor="start" text="dashes: delivery" />
    </Drawing>
  );
}

/** How far the fastest thing smears during one exposure, against the frame. */
export function BlurDrawing({ pixels, width }: { pixels: number; width: number }) {
  const length = Math.min(wide - 24, (pixels / width) * (wide - 24));
  return (
    <Drawing label={`${pixels.toFixed(0)} px of ${width}`}>
      <rect x="12" y="14" width={wide - 24} height="66" fill="none" stroke="var(--ink2)" />
      <defs>
        <linearGradient id="smear">
          <stop offset="0" stopColor="var(--cochineal)" stopOpacity="0.1" />
          <stop offset="1" stopColor="var(--cochineal)" />
        </linearGradient>
      </defs>
      <rect
        x={wide / 2 - length / 2}
        y="34"
        width={Math.max(1, length)}
        height="26"
        rx="6"
        fill="url(#smear)"
      />
      <Words x={150} y={98} text={`${pixels.toFixed(0)} px of ${width} px`} />
    </Drawing>
  );
}

/** A full card and a full battery, and how much of each is used. */
export function SupplyDrawing({ card, battery }: { card: number; battery: number }) {
  const bar = (share: number, y: number, text: string) => (
    <g key={text}>
      <rect x="12" y={y} width="200" height="20" fill="var(--sunk)" stroke="var(--ink2)" />
      <rect
        x="12"
        y={y}
        width={200 * Math.min(1, share)}
        height="20"
        fill={share > 1 ? 'var(--madder)' : 'var(--verdigris)'}
        opacity="0.7"
      />
      <Words x={220} y={y + 14} anchor="start" text={`${text} ${Math.round(share * 100)} %`} />
    </g>
  );
  return (
    <Drawing label={`Card ${Math.round(card * 100)} %, battery ${Math.round(battery * 100)} %`}>
      {[bar(card, 22, 'card'), bar(battery, 62, 'battery')]}
    </Drawing>
  );
}

/** Screens by how far they lie from every colour used. */
export function ScreenDrawing({
  screens,
  used,
}: {
  screens: SetupNumbers['screens'];
  used: readonly string[];
}) {
  return (
    <Drawing label={`Best screen: ${screens[0]?.name ?? 'none'}`}>
      {screens.map(({ name, rgb, distance }, index) => {
        const length = Number.isFinite(distance) ? Math.min(150, distance * 1.6) : 150;
        return (
          <g key={name}>
            <rect
              x="72"
              y={6 + index * 17}
              width={length}
              height="13"
              fill={`rgb(${rgb.join(',')})`}
              stroke="var(--ink2)"
            />
            <Words x={66} y={16 + index * 17} anchor="end" text={name} />
            {Number.isFinite(distance) && (
              <Words x={78 + length} y={16 + index * 17} anchor="start" text={distance.toFixed(0)} />
            )}
          </g>
        );
      })}
      {used.map((colour, index) => (
        <rect
          key={`${colour}${index}`}
          x={12 + index * 18}
          y="94"
          width="14"
          height="12"
          fill={colour}
          stroke="var(--ink2)"
        />
      ))}
    </Drawing>
  );
}

/** The sun over the day: its height, and how long the light would hold from each quarter of an hour. */
export function SunDrawing({
  starts,
  best,
  clock,
}: {
  starts: readonly { start: number; minutes: number; altitude: number }[];
  best: number | null;
  clock: (time: number) => string;
}) {
  const first = starts[0]?.start ?? 0;
  const last = starts[starts.length - 1]?.start ?? 1;
  const x = (time: number) => 10 + ((time - first) / Math.max(1, last - first)) * (wide - 20);
  const most = Math.max(15, ...starts.map(({ minutes }) => minutes));
  const high = Math.max(10, ...starts.map(({ altitude }) => Math.abs(altitude)));
  const arc = starts
    .map(
      ({ start, altitude }, index) =>
        `${index ? 'L' : 'M'}${x(start).toFixed(1)} ${(58 - (altitude / high) * 46).toFixed(1)}`,
    )
    .join('');
  return (
    <Drawing label="The sun's height and how long its light holds">
      {starts.map(({ start, minutes }) => (
        <rect
          key={start}
          x={x(start)}
          y={104 - (minutes / most) * 40}
          width={Math.max(1, (wide - 20) / starts.length - 1)}
          height={(minutes / most) * 40}
          fill={start === best ? 'var(--saffron)' : 'var(--woad)'}
          opacity="0.55"
        />
      ))}
      <line x1="10" x2={wide - 10} y1="58" y2="58" stroke="var(--ink2)" strokeDasharray="3 3" />
      <path d={arc} fill="none" stroke="var(--saffron)" strokeWidth="2.4" />
      {starts
        .filter((_, index) => index % 24 === 0 && index > 0)
        .map(({ start }) => (
          <g key={start}>
            <line x1={x(start)} x2={x(start)} y1="55" y2="61" stroke="var(--ink2)" />
            <Words x={x(start)} y={12} text={clock(start)} />
          </g>
        ))}
    </Drawing>
  );
}

/** The frame with the upright cut that is kept of it. */
export function UprightDrawing({ share, shape }: { share: number; shape: number }) {
  const height = 88;
  const width = height * shape;
  const left = (wide - width) / 2;
  return (
    <Drawing label={`Upright keeps ${(share * 100).toFixed(2)} % of the width`}>
      <rect x={left} y="6" width={width} height={height} fill="var(--sunk)" stroke="var(--ink2)" />
      <rect
        x={left + (width * (1 - share)) / 2}
        y="6"
        width={width * share}
        height={height}
        fill="var(--saffron)"
        fillOpacity="0.3"
        stroke="var(--saffron)"
        strokeWidth="2"
      />
      <Words x={150} y={106} text={`${(share * 100).toFixed(2)} % of the width`} />
    </Drawing>
  );
}
