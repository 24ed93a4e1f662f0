import { UnitText } from '../../ui/UnitText';
import { fixedText } from '../../ui/numberText';
import { type ShownOutcome } from '../../workers/protocol';

/** Every digit, for those who carry results on by hand, and how the parameters hang together. */
export function AllDigits({ outcome }: { outcome: Extract<ShownOutcome, { kind: 'results' }> }) {
  const { results, correlations, count } = outcome;
  return (
    <div className="full-digits mono">
      <table>
        <tbody>
          {results.map(({ key, name, value, standardUncertainty, unit }) => (
            <tr key={key} data-digits={key}>
              <th>{name}</th>
              <td>{value}</td>
              <td>{standardUncertainty === null ? '' : `u = ${standardUncertainty}`}</td>
              <td>
                <UnitText unit={unit} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {count !== null && <div>{count} readings</div>}
      {correlations?.map((row, i) =>
        row.slice(0, i).map((value, j) => (
          <div key={`${i}/${j}`}>
            r({results[j].name}, {results[i].name}) = {fixedText(value, 3)}
          </div>
        )),
      )}
    </div>
  );
}
