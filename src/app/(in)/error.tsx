'use client';
import { PageBroke } from '../../ui/shell/view/PageBroke';

export default PageBroke;
