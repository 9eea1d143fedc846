<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Import;

use Ortholex\Core\FlightLog\Reading\LogPlan;

/** The columns of a foreign log, with what each is taken for. */
final readonly class ColumnsView
{
    /** @param array<string, string> $traces words by canonical name, to choose from */
    public function __construct(public LogPlan $plan, public array $traces, public string $upload, public string $name)
    {
    }
}
