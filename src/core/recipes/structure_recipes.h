// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/recipes/recipe.h"

namespace gantry::recipes {

/// Recipes for what carries the camera: stiffness, swinging, balance, tipping.
std::vector<Recipe> structureRecipes();

} // namespace gantry::recipes
