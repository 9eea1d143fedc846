<?php

declare(strict_types=1);

return (new PhpCsFixer\Config())
    ->setRules([
        '@Symfony' => true,
        'declare_strict_types' => true,
        'global_namespace_import' => false,
        'phpdoc_to_comment' => false,
        'phpdoc_align' => false,
        'phpdoc_summary' => false,
        'single_line_throw' => false,
        'native_function_invocation' => ['include' => ['@compiler_optimized'], 'scope' => 'namespaced', 'strict' => true],
        'native_constant_invocation' => ['fix_built_in' => true, 'strict' => true, 'scope' => 'namespaced'],
        'no_superfluous_phpdoc_tags' => ['allow_mixed' => true],
        'class_attributes_separation' => ['elements' => ['method' => 'one', 'property' => 'none', 'const' => 'none', 'trait_import' => 'none']],
    ])
    ->setRiskyAllowed(true)
    ->setCacheFile(__DIR__.'/var/.php-cs-fixer.cache')
    ->setFinder((new PhpCsFixer\Finder())->in([__DIR__.'/core', __DIR__.'/bench', __DIR__.'/src', __DIR__.'/demo', __DIR__.'/migrations', __DIR__.'/tests', __DIR__.'/config'])->append([__DIR__.'/public/index.php', __DIR__.'/public/router.php'])->exclude(['browser']));
