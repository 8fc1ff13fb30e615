-- IEEE 1076-2002 clause 3.5: protected types, whose methods share the variables of their object
entity protected_types is end entity;
architecture test of protected_types is
  type counter is protected
    procedure step (by : integer := 1);
    impure function value return integer;
  end protected;
  type counter is protected body
    variable n : integer := 100;
    variable steps : natural := 0;
    procedure step (by : integer := 1) is
    begin
      n := n + by;
      steps := steps + 1;
    end procedure;
    impure function value return integer is
    begin
      return n * 10 + steps;
    end function;
  end protected body;
  shared variable a, b : counter;
begin
  process begin
    a.step; a.step(5); b.step(by => -1);
    wait for 1 ns;
    report integer'image(a.value) & " " & integer'image(b.value);
    wait;
  end process;
end architecture;
--> note: 1062 991
