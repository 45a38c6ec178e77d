export { clsx as cx } from 'clsx';
