import type { ReactNode } from 'react'
import { Dialog as AriaDialog, Heading, Modal, ModalOverlay } from 'react-aria-components'
import styled from 'styled-components'

interface Props {
  title: string
  open: boolean
  onClose: (() => void) | null
  /** Room for two columns. */
  wide?: boolean
  children: ReactNode
}

/** A sheet of paper laid over the page. Without `onClose` it stays until it is answered. */
export function Dialog({ title, open, onClose, wide, children }: Props) {
  return (
    <Over
      isOpen={open}
      onOpenChange={(next) => !next && onClose?.()}
      isDismissable={onClose !== null}
      isKeyboardDismissDisabled={onClose === null}
    >
      <Modal>
        <Sheet data-wide={wide || undefined}>
          <Heading slot="title">{title}</Heading>
          {children}
        </Sheet>
      </Modal>
    </Over>
  )
}

const Over = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 10;
  display: grid;
  place-items: center;
  padding: 16px;
  background: color-mix(in srgb, var(--ground) 72%, transparent);
`
const Sheet = styled(AriaDialog)`
  width: min(560px, calc(100vw - 32px));
  max-height: calc(100dvh - 32px);
  overflow: auto;
  padding: 26px 30px 30px;
  background: var(--lifted);
  border: 1.5px solid var(--ink);
  border-radius: 2px;
  display: flex;
  flex-direction: column;
  gap: 16px;
  &[data-wide] {
    width: min(980px, calc(100vw - 32px));
  }
  h2 {
    font-size: 23px;
  }
`
