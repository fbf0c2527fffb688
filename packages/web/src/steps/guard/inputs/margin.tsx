import { Note } from '../../../ui/section';

export function Margin() {
  return (
    <>
      <Note title="Every antenna counts">
        <p>
          An antenna without a disconnect is red until what it hands on is computed or measured, and every other antenna
          of the station until it is drawn. What was typed counts as assumed.
        </p>
      </Note>
    </>
  );
}
