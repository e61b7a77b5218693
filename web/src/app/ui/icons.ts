import { DownOutline, UpOutline } from '@ant-design/icons-angular/icons';

/** Every icon of the set that is shown anywhere: one that is not here would be fetched. */
export const ICONS = [DownOutline, UpOutline];
