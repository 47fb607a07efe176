import { Camera } from 'lucide-react';
import type { ReactNode } from 'react';

interface CameraButtonProps {
  id?: string;
  onTake: (file: File) => void;
  className?: string;
  children: ReactNode;
}

/** Takes a photograph with the device’s camera, or lets one be chosen where there is none. */
export function CameraButton({ id, onTake, className = '', children }: CameraButtonProps) {
  return (
    <label className={`btn relative has-focus-visible:outline-2 has-focus-visible:outline-offset-2 ${className}`}>
      <Camera size={18} aria-hidden />
      {children}
      <input
        id={id}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        capture="environment"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) onTake(file);
          event.target.value = '';
        }}
        className="absolute inset-0 cursor-pointer opacity-0"
      />
    </label>
  );
}
