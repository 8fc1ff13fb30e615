// IEEE 1800-2017 clause 16.3: it asks at once; 0, x and z fail; what has no `else` is an error then, and goes on
module t;
  logic a = 1, u;
  initial begin
    assert (a) $display("holds"); else $display("never");
    assert (!a) $display("never"); else $warning("else");
    assert (u) else $display("x fails");
    named: assert (a);
    assume (a) else $display("never");
    cover (a) $display("covered");
    cover (!a) $display("never");
    assert (a && !a);
    $display("goes on");
  end
endmodule
//> holds
//> warning: else
//> x fails
//> covered
//> error: `assert` fails
//> goes on
