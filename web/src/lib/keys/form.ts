/**
 * Keys of a form that does what cannot be undone: Enter in a field sends nothing, it only goes on to the next; Ctrl+Enter
 * sends from anywhere. An attachment: `{@attach formKeys}`.
 */
export function formKeys(form: HTMLFormElement): () => void {
  const handle = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || event.isComposing) return;
    if (event.ctrlKey || event.metaKey) {
      event.preventDefault();
      form.requestSubmit();
    } else if (event.target instanceof HTMLInputElement) {
      event.preventDefault();
      const fields = [...form.querySelectorAll<HTMLElement>('input, textarea, select')];
      fields[fields.indexOf(event.target) + 1]?.focus();
    }
  };
  form.addEventListener('keydown', handle);
  return () => form.removeEventListener('keydown', handle);
}
