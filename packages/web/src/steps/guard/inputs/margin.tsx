import { Note } from '../../../ui/section';

export function Margin() {
  return (
    <>
      <Note title="Every antenna counts">
        <p>
          An antenna without a disconnect is red whatever its level: coupling changes with band, weather and tuning.
        </p>
      </Note>
    </>
  );
}
