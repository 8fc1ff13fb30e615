// IEEE 1800-2017 clause 13.4.2: variables of a static function keep their value, those of an automatic one do not
module t;
  function static int counted();
    static int n = 0;
    n++;
    return n;
  endfunction
  function automatic int factorial(int n);
    return n <= 1 ? 1 : n * factorial(n - 1);
  endfunction
  initial begin
    void'(counted());
    $display("%0d %0d", counted(), factorial(5));
  end
endmodule
//> 2 120
