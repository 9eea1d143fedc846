<?php

declare(strict_types=1);

namespace Ortholex\App\SetUp;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Crafts;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\HttpKernelInterface;
use Symfony\Component\Routing\RouterInterface;

/**
 * Looks once at every page of a craft and writes down which files of code that took, so that they are loaded when the server starts
 * (config/preload.php) and not again at every page.
 */
#[AsCommand(name: 'app:used-files', description: 'Writes down which files the pages use, for the server to load once.')]
final class UsedFilesCommand extends Command
{
    public function __construct(
        private readonly Crafts $crafts,
        private readonly RouterInterface $router,
        private readonly HttpKernelInterface $kernel,
        #[Autowire('%kernel.cache_dir%')] private readonly string $cacheFolder,
        #[Autowire('%kernel.project_dir%')] private readonly string $projectFolder,
    ) {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $craft = $this->crafts->all()[0] ?? null;
        $addresses = ['/', ...(null === $craft ? [] : $this->addressesOf($craft))];
        foreach ($addresses as $address) {
            // A page that fails says so where it is asked for; here it only stays out.
            $this->kernel->handle(Request::create($address), HttpKernelInterface::MAIN_REQUEST);
        }
        $files = array_values(array_filter(get_included_files(), $this->isClass(...)));
        (new Filesystem())->dumpFile("$this->cacheFolder/used_files.php", "<?php\n\nreturn ".var_export($files, true).";\n");
        $output->writeln(\sprintf('%d pages use %d files', \count($addresses), \count($files)));

        return Command::SUCCESS;
    }

    /** @return list<string> of its pages that need no more than its name */
    private function addressesOf(Craft $craft): array
    {
        $found = [];
        foreach ($this->router->getRouteCollection()->all() as $route) {
            if (['GET'] === $route->getMethods() && ['slug'] === $route->compile()->getPathVariables()) {
                $found[] = str_replace('{slug}', $craft->slug, $route->getPath());
            }
        }

        return $found;
    }

    /** Files of functions are loaded by the autoloader in any case; what only the console uses does no harm. */
    private function isClass(string $file): bool
    {
        $ours = str_starts_with($file, $this->projectFolder) && !str_contains($file, '/vendor/composer/');

        return $ours && 1 === preg_match('~/(?:[A-Z]\w*|[0-9a-f]{32,})\.php$~', $file);
    }
}
