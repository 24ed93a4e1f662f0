import {
  type BandColour,
  type EntryOfKind,
  type KnownConstant,
  Refusal,
  bandColours,
  densities,
  fundamentalConstants,
  gravityAnomaly,
  normalGravity,
  orRefusal,
  parseUnit,
  resistorOf,
  texName,
} from '@heuristor/core';
import { useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { useDialog, useSession } from '../../investigation/context';
import { withConstant } from '../edits';
import { Palette } from '../../ui/Palette';
import { NumberField } from '../../ui/NumberField';
import { Typeset } from '../../ui/Typeset';
import { UnitText } from '../../ui/UnitText';
import { resultText } from '../../ui/numberText';

type Taken = Omit<KnownConstant, 'name'>;

/** The tables that ship, from which a constant is taken onto the sheet. */
export function KnownConstants() {
  return useDialog('constants') === true ? <OpenTables /> : null;
}

function OpenTables() {
  const session = useSession();
  const { close } = session.dialogs;
  const take = ({ symbol, value, uncertainty, unit, source }: Taken) => {
    const constant: Partial<EntryOfKind<'constant'>> = { value, uncertainty, unit, source };
    session.changeWorkings((sheet) => withConstant(sheet, symbol, constant));
    close();
  };
  const matches =
    (typed: string) =>
    ({ name, symbol }: KnownConstant) => {
      const words = typed.trim().toLowerCase();
      return name.toLowerCase().includes(words) || symbol.toLowerCase() === words;
    };
  return (
    <Palette
      title="Constants from tables"
      label="Find a constant"
      placeholder="Find: speed of light, brass, …"
      size="lg"
      className="known-constants"
      isTypedAtOnce={false}
      onClose={close}
      above={
        <>
          <LocalGravity onTake={take} />
          <Resistor onTake={take} />
        </>
      }
    >
      {(typed) => (
        <>
          <Table
            title="Fundamental constants"
            all={fundamentalConstants.filter(matches(typed))}
            onTake={take}
          />
          <Table title="Densities" all={densities.filter(matches(typed))} onTake={take} />
        </>
      )}
    </Palette>
  );
}

function Table({
  title,
  all,
  onTake,
}: {
  title: string;
  all: readonly KnownConstant[];
  onTake: (taken: Taken) => void;
}) {
  if (all.length === 0) return null;
  return (
    <section aria-label={title}>
      <h3>{title}</h3>
      <p className="quiet small">
        {title === 'Densities' ? 'Usual handbook values; samples differ.' : all[0].source}
      </p>
      <table>
        <tbody>
          {all.map((constant) => (
            <tr key={constant.name}>
              <th scope="row">{constant.name}</th>
              <td className="mono">
                <Typeset tex={texName(constant.symbol)} /> = {shownValue(constant)}{' '}
                <UnitText unit={parseUnit(constant.unit)} />
              </td>
              <td>
                <Button variant="bare" aria-label={`Take ${constant.name}`} onClick={() => onTake(constant)}>
                  take
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** An exact value has all its digits. */
const shownValue = ({ value, uncertainty }: KnownConstant) =>
  uncertainty > 0
    ? resultText(value, uncertainty)
    : resultText(value, null, 10)
        .replace(/(\.\d*?)0+(?=$| )/, '$1')
        .replace(/\.(?=$| )/, '');

function LocalGravity({ onTake }: { onTake: (taken: Taken) => void }) {
  const [latitude, setLatitude] = useState(50);
  const [height, setHeight] = useState(0);
  const gravity = orRefusal(() => normalGravity(latitude, height));
  return (
    <section aria-label="Local acceleration of free fall">
      <h3>Local acceleration of free fall</h3>
      <div className="known-row">
        <label htmlFor="latitude">Latitude</label>
        <NumberField id="latitude" label="Latitude in degrees" value={latitude} onCommit={setLatitude} />
        <span>°, height</span>
        <NumberField label="Height in metres" value={height} onCommit={setHeight} />
        <span>m:</span>
        {gravity instanceof Refusal ? (
          <span className="refused">{gravity.message}</span>
        ) : (
          <>
            <span className="mono">
              g = {resultText(gravity, gravityAnomaly)} <UnitText unit={parseUnit('m.s-2')} />
            </span>
            <Button
              variant="bare"
              aria-label="Take g"
              onClick={() =>
                onTake({
                  symbol: 'g',
                  value: Number(gravity.toPrecision(7)),
                  uncertainty: gravityAnomaly,
                  unit: 'm.s-2',
                  source: `WGS 84 gravity formula at ${latitude}°, ${height} m; real places differ by about ${gravityAnomaly} m/s²`,
                })
              }
            >
              take
            </Button>
          </>
        )}
      </div>
    </section>
  );
}

const places = ['First band', 'Second band', 'Third band', 'Fourth band', 'Fifth band'];

function Resistor({ onTake }: { onTake: (taken: Taken) => void }) {
  const [bands, setBands] = useState<(BandColour | '')[]>(['brown', 'black', 'red', 'gold', '']);
  const resistor = orRefusal(() => resistorOf(bands.filter((band) => band !== '')));
  return (
    <section aria-label="Resistor by its colours">
      <h3>Resistor by its colours</h3>
      <div className="known-row">
        {places.map((place, i) => (
          <Form.Select
            key={place}
            aria-label={place}
            value={bands[i]}
            onChange={(event) =>
              setBands(bands.map((band, k) => (k === i ? (event.target.value as BandColour | '') : band)))
            }
          >
            {i > 2 && <option value="">none</option>}
            {bandColours.map((colour) => (
              <option key={colour} value={colour}>
                {colour}
              </option>
            ))}
          </Form.Select>
        ))}
      </div>
      <div className="known-row">
        {resistor instanceof Refusal ? (
          <span className="refused">{resistor.message}</span>
        ) : (
          <>
            <span className="mono">R = {resultText(resistor.ohms, resistor.standardUncertainty)} Ω</span>
            <span className="quiet small">(tolerance {100 * resistor.tolerance} %, over √3)</span>
            <Button
              variant="bare"
              aria-label="Take R"
              onClick={() =>
                onTake({
                  symbol: 'R',
                  value: resistor.ohms,
                  uncertainty: Number(resistor.standardUncertainty.toPrecision(6)),
                  unit: 'Ohm',
                  source: `Colour code ${bands.filter((band) => band !== '').join(', ')} (IEC 60062), tolerance ${100 * resistor.tolerance} % over √3`,
                })
              }
            >
              take
            </Button>
          </>
        )}
      </div>
    </section>
  );
}
