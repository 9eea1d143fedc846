<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

/** A computation was asked for something that its mathematics, or the flight it looks at, does not allow. */
interface SignalError extends \Throwable
{
}
