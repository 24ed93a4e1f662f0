import { Form } from 'react-bootstrap';
import { useDocuments, useSession } from '../../investigation/context';
import { type FieldEditor } from './field';

export const regions: FieldEditor<'regions', readonly string[]> = {
  Control({ id, field: { label }, entry, value, set }) {
    const { whole } = useSession();
    const entries = useDocuments(({ workings }) => workings.entries);
    const own = 'region' in entry ? entry.region : null;
    const others = entries.filter((other) => other.kind === 'region').filter((other) => other.id !== own);
    return (
      <div id={id} role="group" aria-label={label} className="region-choices">
        {own === null || others.length === 0 ? (
          <span className="quiet">{own === null ? `it is on ${whole}` : 'no other region'}</span>
        ) : (
          others.map((other) => (
            <Form.Check
              key={other.id}
              id={`${id}${other.id}`}
              label={`${other.letter} ${other.name}`.trim()}
              checked={value.includes(other.id)}
              onChange={({ target }) =>
                set(target.checked ? [...value, other.id] : value.filter((region) => region !== other.id))
              }
            />
          ))
        )}
      </div>
    );
  },
};
