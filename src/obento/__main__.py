from obento.cli import main

main()
