// IEEE 1800-2017 clause 26.3: everything a package has is used by its path
package fixed;
  parameter int POINT = 4;
  typedef logic signed [11:0] number;
  function automatic number times(number a, number b);
    logic signed [23:0] whole = a * b;
    return number'(whole >>> POINT);
  endfunction
  localparam number ONE = 1 << POINT;
endpackage
module t;
  fixed::number a = 3 * fixed::ONE, b = -fixed::ONE / 2, y;
  initial begin
    y = fixed::times(a, b); $display("%0d", y);
    $display("%0d", fixed::times(y, y));
    $display("%0d %0d", $bits(fixed::number), fixed::POINT);
  end
endmodule
//> -24
//> 36
//> 12 4
