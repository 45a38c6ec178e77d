/** Copies a text; whether it could. The older way serves pages without a secure origin. */
export async function copyText(text: string, document: Document): Promise<boolean> {
  try {
    await document.defaultView?.navigator.clipboard.writeText(text);
    return true;
  } catch {
    const field = document.createElement('textarea');
    field.value = text;
    field.setAttribute('readonly', '');
    Object.assign(field.style, { position: 'fixed', insetInlineStart: '-9999px' });
    document.body.append(field);
    field.select();
    const isCopied = document.execCommand?.('copy') ?? false;
    field.remove();
    return isCopied;
  }
}
