-- IEEE 1076-1993 clauses 8.8 to 8.11: for, while, endless loops; exit and next, by label too
entity loops is end entity;
architecture test of loops is
begin
  process
    variable n, total : integer := 0;
  begin
    outer : for i in 1 to 4 loop
      for j in 4 downto 1 loop
        next outer when j = i;
        exit outer when i = 3;
        total := total + 10 * i + j;
      end loop;
    end loop outer;
    report integer'image(total);
    while n < 10 loop
      n := n + 3;
      next when n = 6;
      if n > 8 then exit; end if;
    end loop;
    report integer'image(n);
    loop
      n := n - 1;
      exit when n = 0;
    end loop;
    report integer'image(n);
    for i in 3 to 1 loop report "never"; end loop;
    for c in character range 'a' to 'c' loop report "" & c; end loop;
    a : for i in 0 to 2 loop
      b : for j in 0 to 2 loop
        c : for k in 0 to 2 loop
          next b when k = 1;
          exit a when i = 1;
          report integer'image(i) & integer'image(j) & integer'image(k);
        end loop;
      end loop;
    end loop;
    wait;
  end process;
end architecture;
--> note: 86
--> note: 9
--> note: 0
--> note: a
--> note: b
--> note: c
--> note: 000
--> note: 010
--> note: 020
