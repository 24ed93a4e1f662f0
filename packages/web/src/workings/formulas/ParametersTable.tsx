import {
  type EntryOfKind,
  type ParameterSetting,
  parseUnit,
  printedUnit,
  ucumCode,
  usualSetting,
} from '@heuristor/core';
import { Form } from 'react-bootstrap';
import { useFrontRun, useNameables, usePicture, useSession } from '../../investigation/context';
import { isUsedIn, openNames } from './formulas';
import { TextField } from '../../ui/TextField';

/** What a typed relation leaves to be found: where the search starts, what is held, and between which values it lies. */
export function ParametersTable({ entry }: { entry: EntryOfKind<'formulaFit'> }) {
  const session = useSession();
  const known = useNameables(entry.id);
  const front = useFrontRun();
  const outcome = usePicture(({ outcomes }) => outcomes[front?.id ?? '']?.[entry.id]);
  const names = [...new Set([...Object.keys(entry.parameters), ...openNames(entry.formula, known)])].filter(
    (name) => isUsedIn(entry.formula, name),
  );
  if (names.length === 0) return null;
  const change = (name: string, patch: Partial<ParameterSetting>) =>
    session.changeEntry(entry.id, {
      parameters: { ...entry.parameters, [name]: { ...unitOf(name), ...settingOf(entry, name), ...patch } },
    });
  const found = (name: string) =>
    outcome?.kind === 'results' ? outcome.results.find(({ key }) => key === name) : undefined;
  /** The unit in which its numbers are given, or will be as soon as one is typed: that in which it was found. */
  const unitOf = (name: string): Pick<ParameterSetting, 'toldIn'> => {
    const { toldIn } = settingOf(entry, name);
    const unit = found(name)?.unit;
    if (toldIn !== undefined) return { toldIn };
    return unit === undefined ? {} : { toldIn: ucumCode(unit) };
  };
  return (
    <table className="parameters">
      <thead>
        <tr>
          <th scope="col">Parameter</th>
          <th scope="col">start</th>
          <th scope="col">from</th>
          <th scope="col">to</th>
          <th scope="col">held</th>
        </tr>
      </thead>
      <tbody>
        {names.map((name) => {
          const { start, low, high, held } = settingOf(entry, name);
          const set = (key: 'start' | 'low' | 'high', label: string, value: number | null, empty: string) => (
            <td>
              <TextField
                label={`${label} of ${name}`}
                value={value === null ? '' : String(value).replace('-', '−')}
                placeholder={empty}
                maxLength={30}
                check={(text) =>
                  text.trim() === '' || readNumber(text) !== null ? null : 'Type a number, or nothing.'
                }
                onCommit={(text) => change(name, { [key]: text.trim() === '' ? null : readNumber(text) })}
              />
            </td>
          );
          return (
            <tr key={name}>
              <th scope="row">
                {name} <span className="quiet">{printedUnit(parseUnit(unitOf(name).toldIn ?? ''))}</span>
              </th>
              {set('start', 'Start', start, 'found')}
              {set('low', 'Least', low, '−∞')}
              {set('high', 'Greatest', high, '∞')}
              <td>
                <Form.Check
                  aria-label={`Hold ${name}`}
                  checked={held}
                  onChange={(event) =>
                    change(name, {
                      held: event.target.checked,
                      // It is held where the fit has found it, where nobody has typed anything.
                      ...(event.target.checked && start === null
                        ? { start: Number((found(name)?.value ?? 1).toPrecision(6)) }
                        : {}),
                    })
                  }
                />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const settingOf = ({ parameters }: EntryOfKind<'formulaFit'>, name: string): ParameterSetting =>
  Object.hasOwn(parameters, name) ? parameters[name] : usualSetting;

function readNumber(text: string): number | null {
  const number = Number(text.trim().replace('−', '-').replace(',', '.'));
  return Number.isFinite(number) ? number : null;
}
