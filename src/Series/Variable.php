<?php

declare(strict_types=1);

namespace Ortholex\App\Series;

use Ortholex\Core\Craft\SettingSet;

/** What can be varied in one series: a setting, or a group that goes together. */
final readonly class Variable
{
    private const GAINS = ['p' => 'P', 'i' => 'I', 'd' => 'D', 'ff' => 'Feed-forward'];

    /** Where a first series would go, as shares of what stands; from nought, values. */
    private const SHARES = [0.7, 1.3];

    private const FROM_NOUGHT = [0.0, 1.5];

    /** @param non-empty-list<string> $settings */
    private function __construct(public string $id, public string $title, public array $settings)
    {
    }

    /** @return array<string, self> by id, of what this craft has */
    public static function of(SettingSet $craft): array
    {
        $all = [];
        foreach (self::GAINS as $term => $name) {
            $all[] = new self("both-$term", "$name of roll and pitch", ["gain.roll.$term", "gain.pitch.$term"]);
        }
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $all[] = new self("$axis-pd", "P and D of $axis together", ["gain.$axis.p", "gain.$axis.d"]);
            foreach (self::GAINS as $term => $name) {
                $all[] = new self("$axis-$term", "$name of $axis", ["gain.$axis.$term"]);
            }
        }
        $all[] = new self('rate', 'Cutoff of the rate path', ['rate_path.stage.1.cutoff_hz']);
        $all[] = new self('d', 'Cutoff of the D path', ['d_path.stage.1.cutoff_hz']);
        $all[] = new self('notch', 'Width of the motor notches', ['notch.motor.width_pct']);
        $all[] = new self('command', 'Cutoff of the command low-pass', ['command_low_pass.cutoff_hz']);
        $has = array_filter($all, static fn (self $v): bool => [] === array_filter(
            $v->settings,
            static fn (string $name): bool => !$craft->has($name),
        ));

        return array_column($has, null, 'id');
    }

    /** @return array{float, float} from and to, for a start */
    public function range(SettingSet $craft): array
    {
        $now = $craft->number($this->settings[0]);

        return $now > 0 ? [round($now * self::SHARES[0], 2), round($now * self::SHARES[1], 2)] : self::FROM_NOUGHT;
    }
}
