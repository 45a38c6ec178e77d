import { PlaceControl } from '../../controls/place-control.tsx';
import { LookFold } from '../look-fold.tsx';
import { CloseFold } from './close-fold.tsx';
import { MotionFold } from './motion-fold.tsx';
import { PageBehindFold } from './page-behind-fold.tsx';
import { SizeFold } from './size-fold.tsx';
import { SurfaceFold } from './surface-fold.tsx';

/** What can be set on the box as a whole. */
export function BoxPanel() {
  return (
    <div>
      <div className="pb-4">
        <PlaceControl />
      </div>
      <LookFold />
      <SizeFold />
      <SurfaceFold />
      <CloseFold />
      <MotionFold />
      <PageBehindFold />
    </div>
  );
}
