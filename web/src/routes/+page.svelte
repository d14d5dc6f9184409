<h1 class="p-5 font-serif text-2xl">Solvenda</h1>
