import type { Slip } from '@immeld/core/contract/slips';
import { addressOf } from '../../api/call';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';

/** A slide as it was drawn; its place is in pencil as long as it is only proposed. */
export function SlidePicture({
  slide,
  size,
}: {
  slide: Slip;
  size: { width: number | string; height: number | string };
}) {
  const colours = useColours();
  const isProposed = slide.slide?.isProposed === true;
  const frame = `${isProposed ? '1px dashed' : '1px solid'} ${isProposed ? colours.petrol : colours.rule}`;
  const style = { ...size, border: frame, boxSizing: 'border-box' } as const;
  return slide.hasPicture ? (
    <img
      src={addressOf('getPicture', { params: { id: slide.id } })}
      alt={slide.text}
      loading="lazy"
      style={{ ...style, objectFit: 'contain', background: '#fff' }}
    />
  ) : (
    <div style={{ ...style, display: 'grid', placeItems: 'center' }}>
      <Type isBold>{slide.text}</Type>
    </div>
  );
}
