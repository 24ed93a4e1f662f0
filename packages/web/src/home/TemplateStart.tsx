import { templateSchema } from '@heuristor/contracts';
import { Dropdown } from 'react-bootstrap';
import { z } from 'zod';
import { useServer } from '../api/queries';
import { FixedMenu } from '../ui/FixedMenu';

const listSchema = z.array(templateSchema);

/** A new investigation that begins with a sheet that was kept, in one press. */
export function TemplateStart({ begin }: { begin: (template: { id: string; name: string }) => void }) {
  const { answer: templates, fault } = useServer('/templates', listSchema);
  return (
    <Dropdown align="end">
      <Dropdown.Toggle variant="plain">From a template</Dropdown.Toggle>
      <FixedMenu className="tall-menu template-menu">
        {fault !== null && <Dropdown.ItemText className="text-danger">{fault}</Dropdown.ItemText>}
        {templates?.length === 0 && (
          <Dropdown.ItemText>
            No sheet was kept yet. Keep one on the Bench, under Templates.
          </Dropdown.ItemText>
        )}
        {templates?.map(({ id, name, about }) => (
          <Dropdown.Item key={id} as="button" onClick={() => begin({ id, name })}>
            <strong>{name}</strong>
            <span className="quiet">{about}</span>
          </Dropdown.Item>
        ))}
      </FixedMenu>
    </Dropdown>
  );
}
