<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

/** What happened on the bench could not be kept, so it has not happened; the message says which file, and what to do. */
interface CannotKeep extends \Throwable
{
}
