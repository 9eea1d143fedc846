<?php

declare(strict_types=1);

namespace Ortholex\Core\Step\Confidence;

/** How far a step response can be believed. */
enum Grade: string
{
    case Firm = 'firm';
    case Fair = 'fair';
    case Weak = 'weak';
    case None = 'none';
}
