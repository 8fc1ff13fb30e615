// IEEE 1800-2017 clause 11.12: `let` names an expression, whose arguments are put in as they are
module t;
  logic [3:0] a = 9, b = 12;
  let most(x, y = 10) = (x > y) ? x : y;
  let equal = a == b;
  initial begin
    $display("%0d %0d %0d", most(a, b), most(a), most(.y(3), .x(a)) + 1);
    $display("%b", equal);
    b = 9;
    $display("%b", equal);
  end
endmodule
//> 12 10 10
//> 0
//> 1
