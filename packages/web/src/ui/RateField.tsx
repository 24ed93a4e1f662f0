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

/** A sample rate, typed as people say it: 50 Hz, 20 ms, 1 a minute. */
export function RateField(props: Props) {
  return <TypedField {...props} read={typedRate} write={rateText} wide />;
}
