import { type ConditionColumn } from '@heuristor/contracts';
import { Button, Dropdown } from 'react-bootstrap';
import { ThreeDots } from 'react-bootstrap-icons';
import { useInvestigation } from '../../investigation/context';
import { FixedMenu } from '../../ui/FixedMenu';
import { NameField } from '../../ui/NameField';

/** What is asked of every run: its names, and all of its values side by side. */
export function ConditionsMenu({
  columns,
  onTable,
}: {
  columns: readonly ConditionColumn[];
  onTable: () => void;
}) {
  const session = useInvestigation();
  const keep = (conditions: ConditionColumn[]) => void session.plan.change({ conditions });
  return (
    <Dropdown drop="up" autoClose="outside">
      <Dropdown.Toggle variant="bare" className="no-caret" aria-label="Conditions: names, and of all runs">
        <ThreeDots aria-hidden />
      </Dropdown.Toggle>
      <FixedMenu className="tall-menu">
        <Dropdown.Item as="button" onClick={onTable}>
          Conditions of all runs …
        </Dropdown.Item>
        {columns.map((column) => {
          const { key, name } = column;
          return (
            <div key={key} className="condition-named">
              <NameField
                label={`Name of the condition ${name}`}
                value={name}
                maxLength={40}
                onCommit={(wanted) =>
                  keep(columns.map((other) => (other.key === key ? { ...other, name: wanted } : other)))
                }
              />
              <Button
                variant="bare"
                size="sm"
                aria-label={`Stop asking for ${name}`}
                onClick={() => keep(columns.filter((other) => other.key !== key))}
              >
                Stop asking for it
              </Button>
            </div>
          );
        })}
      </FixedMenu>
    </Dropdown>
  );
}
