import { Field } from '../../ui/Field'

export interface Account {
  username: string
  shown_name: string
  password: string
}

interface Props {
  value: Account
  onChange: (value: Account) => void
  refused: Partial<Record<string, string>>
}

export const isFull = (value: Account): boolean =>
  Boolean(value.username.trim() && value.shown_name.trim() && value.password)

/** Who somebody is here: how history names them, and what they sign in with. */
export function NewAccount({ value, onChange, refused }: Props) {
  const set = (name: keyof Account) => (text: string) => onChange({ ...value, [name]: text })
  return (
    <>
      <Field
        label="Your name, as history shows it"
        autoComplete="name"
        value={value.shown_name}
        onChange={set('shown_name')}
        error={refused['shown_name']}
      />
      <Field
        label="Name to sign in with"
        autoComplete="username"
        value={value.username}
        onChange={set('username')}
        error={refused['username']}
      />
      <Field
        label="Password"
        type="password"
        autoComplete="new-password"
        value={value.password}
        onChange={set('password')}
        error={refused['password']}
        hint="Ten characters or more; a few words are best."
      />
    </>
  )
}
