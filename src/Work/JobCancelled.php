<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

/** The user cancelled the work; the handler leaves everything in a state that can be told. */
final class JobCancelled extends \RuntimeException
{
}
