import { typedRate } from '@heuristor/core';
import { TypedField } from './TypedField';
import { rateText } from './rateText';

interface Props {
  label: string;
  value: number;
  onCommit: (rate: number) => void;
  check?: (rate: number) => string | null;
  disabled?: boolean;
}

/** A sample rate, typed as people say it: 80 Hz, 25 ms, 6 an hour. */
export function RateField(props: Props) {
  return <TypedField {...props} read={typedRate} write={rateText} wide />;
}
