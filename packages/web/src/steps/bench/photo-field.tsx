import { useId } from 'react';

/** Takes one photo: the camera on a phone, a file elsewhere. */
export function PhotoField({
  photo,
  onPhoto,
}: {
  readonly photo: File | undefined;
  readonly onPhoto: (photo: File | undefined) => void;
}) {
  const id = useId();
  return (
    <div className="mt-3">
      <label htmlFor={id} className="block text-sm text-dim">
        Photo of the end, if you like (JPEG or PNG)
      </label>
      <input
        id={id}
        // a saved photo leaves the field empty again
        key={photo ? 'taken' : 'empty'}
        type="file"
        accept="image/jpeg,image/png"
        capture="environment"
        className="min-h-11 max-w-full border-0 text-sm"
        onChange={(event) => onPhoto(event.target.files?.[0])}
      />
      {photo && <p className="text-sm">{photo.name} goes along.</p>}
    </div>
  );
}
