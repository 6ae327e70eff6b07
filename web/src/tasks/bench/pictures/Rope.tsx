export type RopeFocus = 'ears-up' | 'unlace' | 'slack' | 'ears-on' | 'pull' | 'segments'

const PAIRS = 9
const LEFT = -150
const STEP = 33
const TOP = -70
const FOOT = 70
const HALF = STEP / 2
/** About a third is unlaced to change a head. */
const UNLACED = Math.round(PAIRS / 3)
const SLACK_PAIR = 6

/** Where the two ropes of a pair stand at a share of the way down: apart at the top, together at the foot. */
const spread = (share: number) => HALF * (1 - share)

function Ear({ x, down, firm }: { x: number; down: boolean; firm: boolean }) {
  const from = down ? 0.62 : 0.18
  const to = from + 0.16
  const at = (share: number) => TOP + (FOOT - TOP) * share
  return (
    <polygon
      points={`${x - spread(from)},${at(from)} ${x + spread(from)},${at(from)} ${x + spread(to)},${at(to)} ${x - spread(to)},${at(to)}`}
      className={`paper ${firm ? 'now' : ''}`}
    />
  )
}

/** The rope rolled out flat, pair by pair from the splice on the left to the end on the right. */
export function Rope({ focus }: { focus: RopeFocus }) {
  const ears = focus !== 'unlace' && focus !== 'slack'
  return (
    <g transform="translate(8 0)">
      <path
        d={`M${LEFT - 14} ${TOP} H${LEFT + PAIRS * STEP + 6} M${LEFT - 14} ${FOOT} H${LEFT + PAIRS * STEP + 6}`}
        className="now"
      />
      {Array.from({ length: PAIRS }, (_, n) => n + 1).map((pair) => {
        const x = LEFT + pair * STEP - HALF
        const off = focus === 'unlace' && pair > PAIRS - UNLACED
        const bowed = focus === 'segments' && pair === SLACK_PAIR
        const rope = bowed
          ? `M${x - HALF} ${TOP} Q${x - HALF - 2} 10 ${x} ${FOOT} Q${x + HALF + 10} 6 ${x + HALF} ${TOP}`
          : `M${x - HALF} ${TOP} L${x} ${FOOT} L${x + HALF} ${TOP}`
        return (
          <g key={pair}>
            <path d={rope} className={off ? 'thin dots' : bowed ? 'now' : 'firm'} />
            {ears && !bowed ? <Ear x={x} down={focus === 'pull'} firm={focus !== 'segments'} /> : null}
            <text x={x} y={FOOT + 17} className={`rod ${bowed ? 'strong' : ''}`}>
              {pair}
            </text>
          </g>
        )
      })}
      <circle cx={LEFT} cy={TOP} r={6} className="paper firm" />
      <text x={LEFT} y={TOP - 13}>
        splice
      </text>
      {focus === 'slack' || focus === 'pull' || focus === 'segments' ? (
        <path
          d={`M${focus === 'segments' ? LEFT + SLACK_PAIR * STEP - HALF : LEFT} ${FOOT + 32} H${LEFT + PAIRS * STEP} m-8 -5 l8 5 l-8 5`}
          className="firm"
        />
      ) : null}
    </g>
  )
}

/** Ears up for the lowest pitch, ears down for the highest. */
export function RopeRange() {
  const one = (x: number, down: boolean, words: string) => (
    <g transform={`translate(${x} 0)`}>
      <path d={`M-60 ${TOP} H60 M-60 ${FOOT} H60`} className="now" />
      <path d={`M${-HALF * 2} ${TOP} L0 ${FOOT} L${HALF * 2} ${TOP}`} className="firm" />
      <rect
        x={down ? -13 : -27}
        y={down ? 18 : -48}
        width={down ? 26 : 54}
        height={20}
        className="paper now"
      />
      <text x={0} y={FOOT + 20}>
        {words}
      </text>
    </g>
  )
  return (
    <>
      {one(-78, false, 'ears up: lowest')}
      {one(78, true, 'ears down: highest')}
    </>
  )
}

export function RopeAlign() {
  return (
    <>
      <path d="M-120 -72 H120 M-120 72 H120" className="now" />
      <path d="M-112 -72 V72 M112 -72 V72" />
      {[-90, -54, -18, 18, 54, 90].map((x) => (
        <path key={x} d={`M${x - 14} -72 L${x} 72 L${x + 14} -72`} className="firm" />
      ))}
      <path d="M-7 -6 h14 l-7 10 z" className="full" />
      <path d="M0 -108 V108" className="dots" />
    </>
  )
}

export function Pigtail() {
  return (
    <>
      <path d="M-130 -10 H120 M-130 10 H120" className="firm" />
      {[-50, -22, 6, 34].map((x, n) => (
        <g key={x}>
          <path d={`M${x - 8} 24 C${x - 4} -34 ${x + 12} 34 ${x + 16} -24`} className="now" />
          <text x={x + 4} y={46} className="rod">
            {n + 1}
          </text>
        </g>
      ))}
      <path d="M50 -24 C70 -44 92 -30 84 -10" className="firm" />
    </>
  )
}
