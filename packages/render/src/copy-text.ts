/** Copies a text; whether it could. The older way serves pages without a secure origin. */
export async function copyText(text: string, document: Document): Promise<boolean> {
  try {
    await document.defaultView?.navigator.clipboard.writeText(text);
    return true;
  } catch {
    const { activeElement } = document;
    const field = document.createElement('textarea');
    field.value = text;
    field.setAttribute('readonly', '');
    Object.assign(field.style, { position: 'fixed', insetInlineStart: '-9999px' });
    // Beside what has the focus: a dialog that is open takes it back from anywhere else.
    (activeElement?.closest('[role=dialog]') ?? document.body).append(field);
    field.select();
    const isCopied = document.execCommand?.('copy') ?? false;
    field.remove();
    (activeElement as HTMLElement | null)?.focus?.();
    return isCopied;
  }
}
