import { Note } from '../../../ui/section';

export function Margin() {
  return (
    <>
      <Note title="Every antenna counts">
        <p>
          An antenna without a disconnect is red until the level it delivers is computed or measured. Every other
          antenna and receiver of the station is red until it is drawn, or until you say in Routes that it hangs on
          nothing. What was typed counts as assumed.
        </p>
      </Note>
    </>
  );
}
