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
        // In a folder that is no data folder nothing is made.
        if (is_file("$data/ortholex.sqlite") && (is_dir($passing) || @mkdir($passing))) {
            putenv("TMPDIR=$passing");
        }
    }
}
