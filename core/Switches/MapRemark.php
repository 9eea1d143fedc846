<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

use Ortholex\Core\Fact\Fact;

/** One thing to mind of a switch map, and where it stands in the table. */
final readonly class MapRemark
{
    /**
     * @param Fact        $what    of SwitchCode
     * @param Action|null $action  the row it concerns
     * @param int|null    $channel the lever it concerns
     */
    private function __construct(public Fact $what, public ?Action $action, public ?int $channel, public ?Need $need)
    {
    }

    /** @param float|int|bool|string|\BackedEnum|list<string> ...$figures named */
    public static function of(
        SwitchCode $code,
        ?Action $action = null,
        ?int $channel = null,
        ?Need $need = null,
        float|int|bool|string|\BackedEnum|array ...$figures,
    ): self {
        /** @var array<string, float|int|bool|string|\BackedEnum|list<string>> $figures */
        $named = ['action' => $action, 'channel' => $channel, 'need' => $need] + $figures;

        return new self(Fact::of($code, ...$named), $action, $channel, $need);
    }

    public function is(SwitchCode $code): bool
    {
        return $this->what->is($code);
    }
}
