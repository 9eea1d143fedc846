<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Making;

use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\Core\Parts\PartsCatalogue;
use Ortholex\Core\Parts\Plan\BuildFault;
use Ortholex\Core\Parts\Plan\CraftPlan;

/** The form that a craft is put together with: what was chosen, or what one begins with. */
final readonly class PlanForm
{
    public const RECEIVERS = ['rill-c', 'rill-s'];
    public const EXTRAS = ['plumb-g2', 'heron-400', 'scry-d'];
    public const LONGEST_NAME = 40;
    public const MOST_FAULTS = 14;

    /** Begun with a 5-inch craft. */
    private const FIRST = [
        'frame' => 'rush-216',
        'motor' => 'whin-22',
        'prop' => 'reed-130-3',
        'esc' => 'osier-45',
        'pack' => 'sedge-6-130',
        'board' => 'QUERN-F7',
    ];

    /**
     * @param list<BuildFault> $chosen none: so many are drawn
     */
    private function __construct(
        public string $name,
        public CraftPlan $plan,
        public string $receiver,
        public bool $withFaults,
        public array $chosen,
        public int $number,
        public int $seed,
    ) {
    }

    /** @throws BadRequest for a part that there is not, or a figure that cannot be */
    public static function of(Input $input): self
    {
        $parts = PartsCatalogue::shipped();
        $known = ['frame' => $parts->frames, 'motor' => $parts->motors, 'prop' => $parts->props, 'esc' => $parts->escs];
        $known += ['pack' => $parts->packs, 'board' => $parts->boards];
        $kept = [];
        foreach (self::FIRST as $field => $first) {
            $id = $input->text($field, 40);
            $id = '' === $id ? $first : $id;
            if (!isset($known[$field][$id])) {
                throw BadRequest::at($field, "No $field in the catalogue is called “{$id}”. Choose one of the list.");
            }
            $kept[$field] = $id;
        }
        $diagonal = '' === $input->text('diagonal_mm', 40) ? null : $input->number('diagonal_mm', 60, 1200);
        // One that was left by another frame is not meant for this one.
        if (null !== $diagonal && ('' === $input->text('of_frame', 40) || $input->text('of_frame', 40) === $kept['frame'])) {
            $kept['diagonal_mm'] = $diagonal;
        }
        $receiver = $input->text('receiver', 40);
        $receiver = \in_array($receiver, self::RECEIVERS, true) ? $receiver : self::RECEIVERS[0];
        $extras = array_keys(array_intersect_key($input->map('extras'), array_flip(self::EXTRAS)));
        $kept['extras'] = [$receiver, ...$extras];
        $kept['weighs_g'] = '' === $input->text('weighs_g', 40) ? null : $input->number('weighs_g', 20, 20_000);
        $faults = [];
        foreach (array_keys($input->map('faults')) as $name) {
            $faults[] = BuildFault::tryFrom((string) $name) ?? throw BadRequest::at('faults', "There is no build fault “{$name}”.");
        }

        return new self(
            $input->text('name', self::LONGEST_NAME),
            CraftPlan::fromArray($kept, $parts) ?? throw BadRequest::at('frame', 'One of these parts is in no catalogue.'),
            $receiver,
            'faults' === $input->text('built', 10),
            $faults,
            '' === $input->text('number', 10) ? 4 : $input->whole('number', 1, self::MOST_FAULTS),
            '' === $input->text('seed', 10) ? 1 : $input->whole('seed', 0, 999_999),
        );
    }

    /** @return list<BuildFault> that this craft has */
    public function faults(): array
    {
        return match (true) {
            !$this->withFaults => [],
            [] !== $this->chosen => $this->chosen,
            default => BuildFault::draw($this->seed, $this->number),
        };
    }
}
