export {
  readParcel,
  taskIn,
  writeParcel,
  type Parcel,
  type ParcelFault,
  type ReadParcel,
  type Task,
  type TaskItem,
} from './parcel.js';
