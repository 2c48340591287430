// A photograph made no larger than what is kept of it.
const LONGEST_SIDE = 1600;

export const shrink = async (file) => {
  const picture = await createImageBitmap(file);
  const by = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * by);
  canvas.height = Math.round(picture.height * by);
  canvas.getContext('2d').drawImage(picture, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.82));
};
