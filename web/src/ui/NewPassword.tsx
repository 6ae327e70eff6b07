import { Field } from './Field'

export interface Twice {
  fresh: string
  again: string
}

/** Said twice alike, so that it can be set. */
export const isSame = ({ fresh, again }: Twice): boolean => fresh !== '' && fresh === again

/** A new password, said twice. */
export function NewPassword(props: {
  value: Twice
  onChange: (value: Twice) => void
  error: string | undefined
}) {
  const { value, onChange, error } = props
  const differs = value.again !== '' && value.again !== value.fresh
  return (
    <>
      <Field
        label="New password"
        type="password"
        autoComplete="new-password"
        value={value.fresh}
        onChange={(fresh) => onChange({ ...value, fresh })}
        error={error}
        hint="Ten characters or more; a few words are best."
      />
      <Field
        label="New password once more"
        type="password"
        autoComplete="new-password"
        value={value.again}
        onChange={(again) => onChange({ ...value, again })}
        error={differs ? 'Not the same.' : undefined}
      />
    </>
  )
}
