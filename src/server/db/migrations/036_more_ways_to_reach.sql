-- Who has a second address or a mobile is found and reached by it too; where a firm stands is more than its town.
alter table person add column other_email text, add column mobile text;
alter table company add column street text, add column postcode text, add column vat_number text, add column register_number text;
