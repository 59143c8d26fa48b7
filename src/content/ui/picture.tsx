/** A picture of ours: its id, its own width and height in pixels, and what it shows. */
export type PictureOf = { id: string; width: number; height: number; alt: string };

/** The width of the smaller copy that the server has of a picture, in pixels. */
const SMALL = 720;

type Props = { picture: PictureOf; sizes: string; className?: string; isFirst?: boolean };

/** A picture in the size that fits; its place is held while it comes. `isFirst`: in view as soon as the page is. */
export function Picture({ picture: { id, width, height, alt }, sizes, className, isFirst = false }: Props) {
  const small = Math.min(SMALL, Math.round(width > height ? SMALL : (SMALL * width) / height));
  return (
    // oxlint-disable-next-line nextjs/no-img-element -- resized and served by ourselves
    <img
      src={`/pictures/${id}`}
      srcSet={`/pictures/${id}?size=small ${small}w, /pictures/${id} ${width}w`}
      sizes={sizes}
      width={width}
      height={height}
      alt={alt}
      loading={isFirst ? 'eager' : 'lazy'}
      decoding="async"
      className={className}
    />
  );
}
