<?php

declare(strict_types=1);

namespace Ortholex\App;

use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\HttpKernel\Kernel as BaseKernel;

final class Kernel extends BaseKernel
{
    use MicroKernelTrait;

    /** What is kept, and what is only passing through, is its owner's alone, whoever else is on the machine. */
    public function boot(): void
    {
        parent::boot();
        umask(0o077);
        $data = $this->getContainer()->getParameter('ortholex.data');
        $passing = "$data/tmp";
        if (is_dir($data) && (is_dir($passing) || @mkdir($passing))) {
            putenv("TMPDIR=$passing");
        }
    }
}
