"""No module imports itself by way of others."""

import grimp


def test_nothing_imports_itself_by_way_of_others() -> None:
    graph = grimp.build_graph("toreuma")
    left = {module: graph.find_modules_directly_imported_by(module) for module in graph.modules}
    assert len(left) > 300
    while free := {module for module, imported in left.items() if not imported & left.keys()}:
        left = {module: imported for module, imported in left.items() if module not in free}
    assert not left, f"in circles, or standing on one: {sorted(left)}"
