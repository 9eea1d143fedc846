<?php

declare(strict_types=1);

namespace Ortholex\App\Gains\TakeOver;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\TakeOver;
use Ortholex\Core\Settings\TakeOverPart;

/** What the page shows on which parts of another tune are taken over. */
final readonly class TakeOverView
{
    /**
     * @param array<string, string>  $sources     by what the address calls them
     * @param list<TakeOverPart>     $parts       chosen
     * @param TakeOver|null          $taken       null while nothing is chosen
     * @param list<string>           $differences what makes gains not comparable
     * @param array<string, float>   $scaled      gains by setting, as this craft's own axes would want them
     * @param array<string, Setting> $known
     */
    public function __construct(
        public array $sources,
        public string $from,
        public array $parts,
        public string $name,
        public ?TakeOver $taken,
        public array $differences,
        public array $scaled,
        public SettingSet $now,
        public array $known,
    ) {
    }

    /** @return list<TakeOverPart> */
    public function all(): array
    {
        return TakeOverPart::cases();
    }

    /** @return array<string, float> the scaled ones that differ and can be staged */
    public function scaledChanges(): array
    {
        $changes = [];
        foreach ($this->scaled as $name => $value) {
            if (null !== $this->taken && $this->now->has($name) && \in_array(TakeOverPart::Gains, $this->parts, true)) {
                $setting = $this->known[$name] ?? null;
                $step = null === $setting || $setting->step <= 0 ? 0.1 : $setting->step;
                $changes[$name] = round(round($value / $step) * $step, 3);
            }
        }

        return $changes;
    }

    public function answer(): string
    {
        if (null === $this->taken) {
            return 'Take over a part of another tune: gains, filters, feel. Never wiring, mounting, spans or output pads.';
        }
        $n = \count($this->taken->changes);

        return match (true) {
            0 === $n => "Nothing of these parts differs from $this->name.",
            default => "$n setting".(1 === $n ? '' : 's')." would change, taken from $this->name.",
        };
    }
}
