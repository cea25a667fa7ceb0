import { Slider } from "@base-ui/react/slider";

interface SlideProps {
  name: string;
  value: number;
  least: number;
  greatest: number;
  size?: string;
  onChange: (value: number) => void;
  /** Once it is let go of. */
  onSettle?: (value: number) => void;
}

/** A number set by sliding, where what it does is seen at once. */
export function Slide({ name, value, least, greatest, size = "w-full", onChange, onSettle }: SlideProps) {
  return (
    <Slider.Root className={size} value={value} min={least} max={greatest} onValueChange={onChange} onValueCommitted={onSettle} thumbAlignment="edge">
      <Slider.Control className="flex h-5 touch-none items-center select-none">
        <Slider.Track className="h-1 w-full rounded-selector bg-base-300">
          <Slider.Indicator className="rounded-selector bg-primary" />
          <Slider.Thumb
            aria-label={name}
            className="size-4 rounded-full border-2 border-primary bg-base-100 has-focus-visible:outline-2 has-focus-visible:outline-offset-2 has-focus-visible:outline-accent"
          />
        </Slider.Track>
      </Slider.Control>
    </Slider.Root>
  );
}
