/** Copies a text; whether it could. The older way serves pages without a secure origin. `beside` is what was pressed for it. */
export async function copyText(text: string, beside: HTMLElement): Promise<boolean> {
  const { ownerDocument: document } = beside;
  try {
    await document.defaultView?.navigator.clipboard.writeText(text);
    return true;
  } catch {
    const field = document.createElement('textarea');
    field.value = text;
    field.setAttribute('readonly', '');
    Object.assign(field.style, { position: 'fixed', insetInlineStart: '-9999px' });
    // Within what is modal: nothing outside of it can be chosen, and the browser says that it was copied all the same.
    beside.after(field);
    field.select();
    const isCopied = document.execCommand?.('copy') ?? false;
    field.remove();
    beside.focus();
    return isCopied;
  }
}
