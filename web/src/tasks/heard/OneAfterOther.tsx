import { Plain } from '../../ui/Button'
import { Problem, Soft } from '../../ui/Page'

interface Props {
  /** Of the taps chosen so far, at most two. */
  names: readonly string[]
  withSound: number
  onPlay: (() => void) | undefined
  problem: string
}

/** Two taps played one after the other, to compare by ear. */
export function OneAfterOther({ names: [first, second], withSound, onPlay, problem }: Props) {
  return (
    <section>
      <h2>One after the other</h2>
      {withSound < 2 ? (
        <Soft>Two taps whose sound was kept can be played one after the other here.</Soft>
      ) : (
        <>
          <p>
            {first ? `First ${first}` : 'Choose two taps'}
            {second ? `, then ${second}.` : first ? ', and one more.' : ' in the list.'}
          </p>
          <Plain isDisabled={!onPlay} onPress={() => onPlay?.()}>
            Play both
          </Plain>
          <Soft as="p">
            Keep it quiet: long loud comparing tires and harms the ear. Levels are capped here; your
            loudspeaker is not.
          </Soft>
        </>
      )}
      {problem ? <Problem>{problem}</Problem> : null}
    </section>
  )
}
