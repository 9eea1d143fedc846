<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

/** Rpm feedback was asked of a signal that is a pulse. */
final class NoAnswerOnPulses extends \InvalidArgumentException
{
    public function __construct(public readonly MotorSignal $signal)
    {
        parent::__construct("An ESC cannot answer on the analogue signal $signal->value; rpm feedback needs DShot.");
    }
}
