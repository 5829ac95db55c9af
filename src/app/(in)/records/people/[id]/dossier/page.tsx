import { dossierRoute } from '../../../dossier-route';

export const metadata = { title: 'Dossier' };

export default dossierRoute('person');
