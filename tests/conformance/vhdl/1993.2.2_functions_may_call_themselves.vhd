-- IEEE 1076-1993 clause 2.2: each call with variables of its own
entity t is end;
architecture a of t is
  function fibonacci(n : natural) return natural is
  begin
    if n < 2 then return n; end if;
    return fibonacci(n - 1) + fibonacci(n - 2);
  end;
begin
  process begin
    report integer'image(fibonacci(10));
    wait;
  end process;
end;
--> note: 55
