export { libraryRoutes } from './routes.ts';
export { servePictures } from './serve-pictures.ts';
export { createLibraryService, type LibraryService } from './service.ts';
