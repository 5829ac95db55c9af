import { EMPTY_LIBRARY, type Library } from '../src/core/flow/check';

/** What `longFlow` names. */
export const LONG_FLOW_LIBRARY: Library = {
  ...EMPTY_LIBRARY,
  teams: ['north'],
  pipelines: [{ name: 'Glasshouse sales', stages: ['Qualified'] }],
};

const part = (i: number): string => `match company, person
  ask above 0.60
  same above 0.95
read company from website as research${i}
  heated_area: number in ha "How large is the area under heated glass?"
  controls: text "Which climate computer do they use?"
  controls_since: year "Since when do they have it?"
  expansion: yes/no "Was an expansion announced in the last 18 months?"
  all_year: yes/no "Do they grow all year?"
  service_contract: yes/no "Are they under a service contract?"
  at most 8 pages, 0.20 EUR
split
  when research${i}.heated_area >= 2 ha
    keep when email != null
      else set status = "no e-mail found"
    open deal in "Glasshouse sales" at "Qualified" as deal${i}
    assign deal${i} in turn among "north"
    note "Worth writing to: " + research${i}.controls
    tell owner "A first contact still waits"
    set company.heated_area = research${i}.heated_area
    move deal${i} to "Qualified"
    wait 2 days
  when company.all_year = true and research${i}.controls_since < 2010
    note "Worth a look: " + name
    set status = "worth a look"
  else
    set status = "below the bar"
`;

/** A flow of at least so many rows: readings, splits, conditions, deals, as builders write them. */
export function longFlow(rows: number): string {
  const parts = Math.ceil(rows / part(0).trimEnd().split('\n').length);
  return `flow "Long"\nabout person\n\ntake in from hand\n${Array.from({ length: parts }, (_, i) => part(i)).join('')}`;
}
