import type { PicturePoint } from '@gravek/core/film/planeMap';
import { download, fileName } from '../controls/download';
import type { Marks } from './useReview';

const CLAY = '#a8412a';
const CHALK = '#fffdf8';
const INK = '#1c2621';

/** The frame that is shown with the marks over it, as a picture; nothing of it is sent anywhere. */
export const saveStill = async (
  video: HTMLVideoElement,
  marks: Marks,
  timeS: number,
  lines: readonly string[],
): Promise<void> => {
  const canvas = document.createElement('canvas');
  canvas.width = marks.film.width;
  canvas.height = marks.film.height;
  const pen = canvas.getContext('2d')!;
  const unit = canvas.width / 900;
  pen.drawImage(video, 0, 0, canvas.width, canvas.height);
  pen.lineJoin = 'round';
  pen.lineCap = 'round';
  marks.contacts
    .filter(({ on }) => on.atS <= timeS + 1e-6)
    .forEach(({ at, foot }, i) => {
      pen.beginPath();
      pen.arc(at.x, at.y, 5 * unit, 0, 7);
      pen.fillStyle = foot === 'left' ? CHALK : CLAY;
      pen.fill();
      pen.strokeStyle = CLAY;
      pen.lineWidth = 2 * unit;
      pen.stroke();
      pen.fillStyle = CHALK;
      pen.font = `600 ${13 * unit}px sans-serif`;
      pen.textAlign = 'center';
      pen.fillText(String(i + 1), at.x, at.y + 20 * unit);
    });
  for (const pose of marks.poses.filter(({ on }) => Math.abs(on.atS - timeS) < 1e-6)) {
    const joints: PicturePoint[] = [
      pose.joints.shoulder,
      pose.joints.hip,
      pose.joints.knee,
      pose.joints.ankle,
      pose.joints.toe,
    ];
    pen.beginPath();
    joints.forEach(({ x, y }, i) => (i === 0 ? pen.moveTo(x, y) : pen.lineTo(x, y)));
    pen.strokeStyle = CHALK;
    pen.lineWidth = 4 * unit;
    pen.stroke();
  }
  if (lines.length > 0) {
    const size = 17 * unit;
    pen.font = `600 ${size}px sans-serif`;
    pen.textAlign = 'left';
    pen.fillStyle = INK;
    pen.fillRect(
      0,
      canvas.height - (lines.length + 0.7) * size * 1.35,
      canvas.width,
      canvas.height,
    );
    pen.fillStyle = CHALK;
    lines.forEach((line, i) =>
      pen.fillText(
        line,
        size,
        canvas.height - (lines.length - i - 0.35) * size * 1.35,
        canvas.width - 2 * size,
      ),
    );
  }
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (blob) download(fileName(`${marks.film.name} ${timeS.toFixed(3)}`, 'png'), blob, 'image/png');
};
