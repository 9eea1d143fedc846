<?php

declare(strict_types=1);

namespace Ortholex\Core\Fact;

/** An error whose reason is a fact, so that its words are found above core like those of any other. */
interface Explained extends \Throwable
{
    public function fact(): Fact;
}
