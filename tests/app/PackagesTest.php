<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use PHPUnit\Framework\TestCase;

/** No lock file is kept, so composer.json itself names every package, direct and indirect, by its exact version. */
final class PackagesTest extends TestCase
{
    public function testWhatIsInstalledIsWhatIsPinned(): void
    {
        $root = \dirname(__DIR__, 2);
        $installed = $this->read("$root/vendor/composer/installed.json");
        $asked = $this->read("$root/composer.json");
        $pinned = array_merge((array) ($asked['require'] ?? []), (array) ($asked['require-dev'] ?? []));
        $is = [];
        foreach ((array) ($installed['packages'] ?? []) as $package) {
            self::assertIsArray($package);
            self::assertIsString($package['name']);
            self::assertIsString($package['version']);
            $is[$package['name']] = ltrim($package['version'], 'v');
        }
        self::assertGreaterThan(60, \count($is));
        $packages = array_filter($pinned, static fn (string $name): bool => str_contains($name, '/'), \ARRAY_FILTER_USE_KEY);
        foreach ($packages as $name => $version) {
            self::assertMatchesRegularExpression('~^\d+(\.\d+){2,3}$~', \is_string($version) ? $version : '', "$name is pinned exactly");
        }
        ksort($is);
        ksort($packages);
        self::assertSame($packages, $is, 'each package that is installed is named, and none is named that is not');
    }

    /** @return array<mixed> */
    private function read(string $path): array
    {
        $data = json_decode((string) file_get_contents($path), true);

        return \is_array($data) ? $data : [];
    }
}
