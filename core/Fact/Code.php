<?php

declare(strict_types=1);

namespace Ortholex\Core\Fact;

/** What can be said by a rule: each case one thing, its value the key under which its words stand above core. */
interface Code extends \BackedEnum
{
}
