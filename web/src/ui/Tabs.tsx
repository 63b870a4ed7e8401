import { type ReactNode, useId } from 'react';
import { Nav, TabContainer } from 'react-bootstrap';
import './fields.scss';

/** Tabs over one panel: by pointer, or by keyboard with the arrow keys. What a long panel holds scrolls, by keyboard too. */
export function Tabs<T extends string>({
  label,
  tabs,
  chosen,
  onChoose,
  panelClass,
  children,
}: {
  readonly label: string;
  readonly tabs: readonly { readonly id: T; readonly label: string }[];
  readonly chosen: T;
  readonly onChoose: (id: T) => void;
  readonly panelClass: string;
  readonly children: ReactNode;
}) {
  const base = useId();
  return (
    <TabContainer
      activeKey={chosen}
      onSelect={(id) => id && onChoose(id as T)}
      generateChildId={(id, type) => (type === 'tab' ? `${base}-${id}` : `${base}-panel`)}
    >
      <Nav className="tabs" role="tablist" aria-label={label}>
        {tabs.map((tab) => (
          <Nav.Link key={tab.id} as="button" type="button" eventKey={tab.id} bsPrefix="tab">
            {tab.label}
          </Nav.Link>
        ))}
      </Nav>
      <div
        id={`${base}-panel`}
        className={panelClass}
        role="tabpanel"
        aria-labelledby={`${base}-${chosen}`}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must take the keyboard
        tabIndex={0}
      >
        {children}
      </div>
    </TabContainer>
  );
}
