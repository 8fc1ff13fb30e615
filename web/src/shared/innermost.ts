const OPEN = ['.ant-select-dropdown', '.ant-dropdown', '.ant-popover', '.ant-picker-dropdown']
const FIELDS = 'input, textarea, select, [contenteditable=true], .cm-editor'

/** What Escape closes first: something that is open above the page, then the field that is written in. Gives whether there was any. */
export function closeInnermost(): boolean {
  if (document.querySelector('.ant-modal-wrap:not([style*="display: none"])')) return true // it closes itself
  if (OPEN.some((kind) => document.querySelector(`${kind}:not([class*="-hidden"]):not([style*="display: none"])`))) {
    document.body.dispatchEvent(new MouseEvent('mousedown', { bubbles: true }))
    return true
  }
  const field = document.activeElement
  if (
    !(field instanceof HTMLElement) ||
    !field.matches(
      `${FIELDS}, ${FIELDS.split(', ')
        .map((f) => `${f} *`)
        .join(', ')}`,
    )
  )
    return false
  field.blur()
  return true
}
