<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

/** Stands for the end of the process: nothing catches it. */
final class Killed extends \Error
{
}
