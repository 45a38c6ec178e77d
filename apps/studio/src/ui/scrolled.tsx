import { type ReactNode, useEffect, useRef, useState } from 'react';

interface ScrolledProps {
  /** What it is, for those who come to it by key. */
  readonly label: string;
  readonly className: string;
  readonly children: ReactNode;
}

/** A part of a dialog that scrolls in itself; where it does, keys reach it too, though nothing in it may take the focus. */
export function Scrolled({ label, className, children }: ScrolledProps) {
  const region = useRef<HTMLElement>(null);
  const content = useRef<HTMLDivElement>(null);
  const [doesScroll, setDoesScroll] = useState(false);
  useEffect(() => {
    const { current: outer } = region;
    if (!outer || !content.current) return undefined;
    const observer = new ResizeObserver(() => setDoesScroll(outer.scrollHeight > outer.clientHeight + 1));
    observer.observe(outer);
    observer.observe(content.current);
    return () => observer.disconnect();
  }, []);
  return (
    <section ref={region} className={className} {...(doesScroll ? { tabIndex: 0, 'aria-label': label } : {})}>
      <div ref={content}>{children}</div>
    </section>
  );
}
